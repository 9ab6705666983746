export const DATUMS = ["chart", "mean-sea-level", "lowest-astronomical", "ordnance"];
const OFFSETS = { chart: 0, "mean-sea-level": -2.41, "lowest-astronomical": 0.12, ordnance: -2.76 };
export function toDatum(height, datum) {
  if (!(datum in OFFSETS)) throw new RangeError(`unknown datum ${datum}, there are ${DATUMS.join(", ")}`);
  return height + OFFSETS[datum];
}
