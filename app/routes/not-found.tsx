export function loader({ request }: { request: Request }) {
  throw new Response(`There is no page ${new URL(request.url).pathname}.`, { status: 404 });
}

export default function NotFound() {
  return null;
}
