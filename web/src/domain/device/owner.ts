/** Whose things this device keeps: a coach of a club. What one has left here is neither shown to another nor sent as theirs. */

export interface Owner {
  coach: number;
  club: number;
}

let signedIn: Owner | null = null;

export function setOwner(owner: Owner | null): void {
  signedIn = owner;
}

export const ownerNow = (): Owner | null => signedIn;

/** Whether a thing is theirs who are signed in; what was kept before owners were is anybody's. */
export const isOwn = (owner: Owner | null | undefined): boolean =>
  !owner || (signedIn !== null && owner.coach === signedIn.coach && owner.club === signedIn.club);
