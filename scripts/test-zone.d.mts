export const TEST_ZONE: string;
