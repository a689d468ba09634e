/** What was asked, by the name of the account: what the asker calls themselves does not count. @param name null where there are no accounts */
export function byAccount(asked: unknown, name: string | null): unknown {
  return name === null || typeof asked !== 'object' || asked === null || Array.isArray(asked)
    ? asked
    : { ...asked, by: name };
}
