/** The page that is kept for when there is no server, and the place in it for a nonce. */
export const SHELL = "/offline.html";
export const NONCE_PLACE = "KLINKO-NONCE";
/** Where another program hands a file over, and under which name it waits for the page. */
export const SHARED_TO = "/shared-file";
export const SHARED = "klinko-shared";
/** Said to a newer app that waits: take over. */
export const SKIP_WAITING = "take-over";
