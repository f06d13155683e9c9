import { openApiDocument } from '../openapi';

export function GET(request: Request): Response {
  return Response.json(openApiDocument(process.env.ISOBAR_URL ?? new URL(request.url).origin));
}
