// Which made-up package stands where under the site's node_modules, in which version: `place` is
// the folder below the site, `from` the folder below `packages/`.
const shared = [
  ["@kelpwick/ui", "0.8.0"],
  ["fogbell-log", "1.1.0"],
  ["fairlead-bus", "2.1.0"],
  ["capstan-fetch", "2.3.1"],
  ["halyard-forms", "1.5.0"],
  ["pelorus-geo", "1.2.0"],
  ["moorline", "2.6.0"],
  ["burgee-plot", "5.1.0"],
  ["ropework", "4.2.0"],
  ["sounding-math", "0.9.1"],
  ["tidecalc", "3.0.4"],
  ["windlass-i18n", "1.0.3"],
].map(([name, version]) => ({ place: `node_modules/${name}`, from: `${name}@${version}` }));

export const layout = {
  // halyard-forms came with a fairlead-bus of its own.
  before: [...shared, { place: "node_modules/halyard-forms/node_modules/fairlead-bus", from: "fairlead-bus@1.4.2" }],
  after: shared,
};
