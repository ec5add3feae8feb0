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
