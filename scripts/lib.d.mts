/** Where the test's Chromium lies. */
export const chromiumPath: string;
