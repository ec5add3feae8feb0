import { randomBytes } from "node:crypto";
import { PassThrough } from "node:stream";
import { text } from "node:stream/consumers";
import { renderToPipeableStream } from "react-dom/server";
import { ServerRouter, type EntryContext } from "react-router";
import { ServerStyleSheet, StyleSheetManager } from "styled-components";
import { NonceContext } from "./nonce";
import { NONCE_PLACE } from "./offline/names";

export const streamTimeout = 5_000;

function contentSecurityPolicy(nonce: string): string {
  const dev = import.meta.env.DEV;
  return [
    "default-src 'none'",
    `script-src 'self' 'nonce-${nonce}'`,
    // React Aria and charts set style attributes; style elements need the nonce.
    `style-src-elem 'self' ${dev ? "'unsafe-inline'" : `'nonce-${nonce}'`}`,
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "media-src 'self' blob:",
    `connect-src 'self'${dev ? " ws:" : ""}`,
    "worker-src 'self'",
    "manifest-src 'self'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}

/** Renders a page whole (no data comes late: it lives in the browser) with its styles in the head. */
export default async function handleRequest(
  request: Request,
  status: number,
  headers: Headers,
  context: EntryContext,
): Promise<Response> {
  // The page that is kept for when there is no signal gets its nonce where it is shown.
  const nonce = request.headers.has("X-React-Router-SPA-Mode") ? NONCE_PLACE : randomBytes(16).toString("base64");
  const sheet = new ServerStyleSheet({ nonce });
  headers.set("Content-Type", "text/html; charset=utf-8");
  headers.set("Content-Security-Policy", contentSecurityPolicy(nonce));
  headers.set("Referrer-Policy", "no-referrer");
  headers.set("Cross-Origin-Opener-Policy", "same-origin");
  headers.set("Permissions-Policy", "camera=(self), microphone=(), geolocation=(self), payment=()");
  headers.set("Cache-Control", "no-store");
  if (request.method === "HEAD") return new Response(null, { status, headers });
  try {
    const html = await new Promise<string>((resolve, reject) => {
      let failed: unknown = null;
      const { pipe, abort } = renderToPipeableStream(
        <StyleSheetManager sheet={sheet.instance}>
          <NonceContext value={nonce}>
            <ServerRouter context={context} url={request.url} nonce={nonce} />
          </NonceContext>
        </StyleSheetManager>,
        {
          nonce,
          onAllReady() {
            clearTimeout(timer);
            if (failed) status = 500;
            const body = new PassThrough();
            text(body).then(resolve, reject);
            pipe(body);
          },
          onShellError: reject,
          onError(error) {
            failed = error;
            // eslint-disable-next-line no-console -- the server's log is the only place for this
            console.error(error);
          },
        },
      );
      const timer = setTimeout(abort, streamTimeout + 1000);
    });
    return new Response(
      html.replace("</head>", () => `${sheet.getStyleTags()}</head>`),
      { status, headers },
    );
  } finally {
    sheet.seal();
  }
}
