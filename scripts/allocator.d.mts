export const ALLOCATOR: Readonly<Record<string, string>>;
