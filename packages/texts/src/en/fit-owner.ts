/** Findings of the rules about an owner, of whoever manages a device, and of the account on it. */
export const fitOwner = {
  'fit.owner.managed.none': 'Nobody manages it',
  'fit.owner.managed.agreed': 'Whoever manages it agreed',
  'fit.owner.managed.asked': 'Nobody has said whether somebody manages it: that is asked at intake',
  'fit.owner.managed.not': 'Whoever manages it did not agree',
  'fit.owner.account.absent': 'No account is on it',
  'fit.owner.account.able': 'Its owner has shown that they can sign in',
  'fit.owner.account.remove':
    'Its owner can sign in, and this house wipes nothing before the account is removed',
  'fit.owner.account.asked':
    'After a wipe it asks for the account that is on it, and whether one is was not asked at intake',
  'fit.owner.account.read':
    'Intake says that no account is on it, and one was read: after a wipe it asks for that. Ask again who can sign in',
  'fit.owner.account.shut':
    'After a wipe it asks for an account that nobody here can sign in to: it stays shut',
} as const
