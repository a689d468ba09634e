/** Where a device lets itself in; the code stands behind the #, which is not sent to any server. */
export const LET_IN_AT = '/let-in';
