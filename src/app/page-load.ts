import { isProblem } from './problems';

interface PageContext {
  readonly params: Readonly<Record<string, string | undefined>>;
  rewrite(path: string): Promise<Response>;
  redirect(path: string): Response;
}

/** Runs a page's loader for the id in its address. An id that is none, or names nothing, shows the page for that. */
export async function load<View>(page: PageContext, loader: (id: number) => Promise<View>): Promise<View | Response> {
  const text = page.params['id'] ?? '';
  if (!/^[1-9]\d{0,8}$/.test(text)) return page.rewrite('/404');
  try {
    return await loader(Number(text));
  } catch (error) {
    if (isProblem(error) && error.code === 'not-found') return page.rewrite('/404');
    throw error;
  }
}

/** Loads a page about a bench; what keeps it from being shown is told on the bench itself, `tell` being its query. */
export function loadOrBench<View>(
  page: PageContext,
  loader: (id: number) => Promise<View>,
  tell = '',
): Promise<View | Response> {
  return load<View | Response>(page, async (id) => {
    try {
      return await loader(id);
    } catch (error) {
      if (isProblem(error) && error.code !== 'not-found') return page.redirect(`/bench/${id}${tell}`);
      throw error;
    }
  });
}

/** The page number that an address asks for: 1 where it asks for none, or for nonsense. */
export function pageNumber(address: URL): number {
  const text = address.searchParams.get('page') ?? '';
  return /^[1-9]\d{0,5}$/.test(text) ? Number(text) : 1;
}

/** Every whole number that an address gives by a name, in its order; nonsense is passed over. */
export const wholeNumbers = (address: URL, name: string): number[] =>
  address.searchParams.getAll(name).flatMap((text) => (/^[1-9]\d{0,8}$/.test(text) ? [Number(text)] : []));

/** The number that an address gives by a name, where it is one of this range; null where it gives none, or nonsense. */
export function numberBetween(address: URL, name: string, least: number, most: number): number | null {
  const text = address.searchParams.get(name) ?? '';
  const value = /^\d{1,6}(\.\d{1,6})?$/.test(text) ? Number(text) : NaN;
  return value >= least && value <= most ? value : null;
}
