import { catalogueList } from '../catalogue';

export const GET = catalogueList('parts');
