// How Chromium is started everywhere: Debian's, without a sandbox, and talking to nobody.
export const chromiumOptions = {
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run'],
};
