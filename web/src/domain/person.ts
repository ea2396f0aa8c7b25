/** Somebody in a list: the name, and what they do where that is said. */
export const nameAndSport = ({ name, sport }: { name: string; sport: string }): string =>
  sport ? `${name}, ${sport}` : name;
