const OFF = ["AvoidUnnecessaryBeforeUnloadCheckSync", "DestroyProfileOnBrowserClose", "HttpsUpgrades", "HttpsFirstBalancedModeAutoEnable", "LensOverlay", "MediaRouter", "PaintHolding", "ThirdPartyStoragePartitioning", "AvoidCorsURLLoaderRestartOnRedirect", "OptimizationHints", "NetworkTimeServiceQuerying", "AimEnabled", "PreconnectToSearch", "WebUIOmniboxPopup", "WebUIOmniboxAimPopup", "WebUIOmniboxFullPopup"]; // prettier-ignore

/** Debian's Chromium, kept quiet on a machine without a network. */
export const chromium = {
  executablePath: process.env.CHROME_PATH ?? "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--no-first-run",
    // What Playwright turns off, which this list takes the place of, and the pages behind the address bar that each window loads.
    `--disable-features=${OFF.join(",")}`,
  ],
};

/** The same browser without its windows, where there is one: pages are the same, and it needs less of a processor. */
export const shell = { ...chromium, executablePath: process.env.SHELL_PATH ?? chromium.executablePath };

/** A browser whose camera is this film, going round and round. */
export const withCamera = (film: string) => ({
  permissions: ["camera"],
  launchOptions: {
    ...chromium,
    args: [
      ...chromium.args,
      "--use-fake-device-for-media-stream",
      "--use-fake-ui-for-media-stream",
      `--use-file-for-fake-video-capture=${film}`,
    ],
  },
});
