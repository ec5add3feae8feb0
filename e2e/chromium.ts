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
  ],
};

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
