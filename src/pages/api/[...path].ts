import type { APIRoute } from 'astro';
import { dispatch } from '../../api/dispatch';
import { currentContext } from '../../app/context';

export const ALL: APIRoute = ({ request }) => dispatch(currentContext(), request);
