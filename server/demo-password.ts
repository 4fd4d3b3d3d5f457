/** Password of every demo account. It is shown on the sign-in page, and only demo accounts have it. */
export const DEMO_PASSWORD = 'saltmarsh';
