/** The page that is kept for when there is no server, and the place in it for a nonce. */
export const SHELL = "/offline.html";
export const NONCE_PLACE = "KLINKO-NONCE";
/** Said to a newer app that waits: take over. */
export const SKIP_WAITING = "take-over";
