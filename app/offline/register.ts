/** Fetches the app for when there is no signal, once the page itself is there. */
export function registerOffline(): void {
  if (!import.meta.env.PROD || !("serviceWorker" in navigator)) return;
  const register = () => {
    navigator.serviceWorker.register("/sw.js").catch(() => {
      // Without it Klinko works as long as the server is within reach.
    });
  };
  if (document.readyState === "complete") register();
  else addEventListener("load", register, { once: true });
}
