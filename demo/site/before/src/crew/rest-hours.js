const NEEDED = 11;
/** The longest rest in any 24 hours of the week, per person. */
export function restHours({ people, watches }) {
  return people.map((person) => {
    const own = watches.filter(({ who }) => who === person.id).map(({ from, to }) => [Date.parse(from), Date.parse(to)]).sort((a, b) => a[0] - b[0]);
    let worst = 24;
    for (let at = 1; at < own.length; at++) worst = Math.min(worst, (own[at][0] - own[at - 1][1]) / 3600000);
    return { ...person, hours: Math.max(0, Math.round(worst * 10) / 10), short: worst < NEEDED };
  });
}
