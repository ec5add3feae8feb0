import "@fontsource-variable/atkinson-hyperlegible-next/wght.css";
import "@fontsource/b612-mono/400.css";
import "@fontsource/b612-mono/700.css";
import type { ReactNode } from "react";
import { I18nProvider } from "react-aria-components/I18nProvider";
import { Links, Meta, Outlet, Scripts, ScrollRestoration, useRouteLoaderData } from "react-router";
import type { Route } from "./+types/root";
import { useNonce } from "./nonce";
import { asAttributes, looksIn } from "./store/look";
import { useOtherTabs } from "./store/tabs";
import { Keys } from "./ui/Keys";
import { GlobalStyle } from "./ui/theme";
import { Update } from "./ui/Update";

export function loader({ request }: Route.LoaderArgs) {
  const looks = looksIn(request.headers.get("Cookie") ?? "");
  const locale = /^[a-z]{2}(-[A-Z]{2})?/.exec(request.headers.get("Accept-Language") ?? "")?.[0] ?? "en";
  return { looks, locale, demo: process.env.KLINKO_DEMO === "1" };
}

export function shouldRevalidate() {
  return false;
}

export const meta: Route.MetaFunction = () => [
  { title: "Klinko" },
  {
    name: "description",
    content: "Reads the codes that old vehicles blink, says what they mean, and proves the repair.",
  },
];

/**
 * Libraries make errors that they throw later, or never, as they are loaded; for the stack of each the browser parses the whole file once
 * more. No stack is taken until the entry has all its modules, and says so.
 */
const NO_STACKS = "Error.stackTraceLimit=0";

export function Layout({ children }: { children: ReactNode }) {
  const nonce = useNonce();
  const data = useRouteLoaderData<typeof loader>("root");
  return (
    <html
      lang="en"
      {...asAttributes(data?.looks ?? {})}
      data-demo={data?.demo ? "yes" : undefined}
      suppressHydrationWarning
    >
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta property="csp-nonce" content={nonce} suppressHydrationWarning />
        <meta name="theme-color" content="#101a21" />
        <link rel="icon" href="/icon.svg" type="image/svg+xml" />
        <link rel="apple-touch-icon" href="/icon-192.png" />
        <link rel="manifest" href="/manifest.webmanifest" />
        <Meta />
        <Links nonce={nonce} />
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: NO_STACKS }} />
      </head>
      <body>
        <GlobalStyle />
        {children}
        <ScrollRestoration nonce={nonce} />
        <Scripts nonce={nonce} />
      </body>
    </html>
  );
}

export default function Root({ loaderData }: Route.ComponentProps) {
  useOtherTabs();
  return (
    <I18nProvider locale={loaderData.locale}>
      <Update />
      <Keys />
      <Outlet />
    </I18nProvider>
  );
}

export { PageProblem as ErrorBoundary } from "./ui/Problem";
