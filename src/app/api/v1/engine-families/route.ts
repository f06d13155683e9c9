import { catalogueList } from '../catalogue';

export const GET = catalogueList('engine-families');
