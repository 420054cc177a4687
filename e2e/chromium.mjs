// How Chromium is started everywhere: Debian's, without a sandbox, and talking to nobody. All pages of a test share one process: to
// start another costs more than most tests.
export const chromiumOptions = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--no-first-run',
    '--in-process-gpu', '--disable-site-isolation-trials', '--renderer-process-limit=1',
    // The name of the shop that is on a network.
    '--host-resolver-rules=MAP shop.test 127.0.0.1',
  ],
};
