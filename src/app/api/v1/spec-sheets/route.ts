import { catalogueList } from '../catalogue';

export const GET = (request: Request): Promise<Response> => catalogueList(request, 'spec-sheets');
