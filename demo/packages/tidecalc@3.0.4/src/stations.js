// Harmonics of invented harbours: amplitude in metres, phase in degrees.
const STATIONS = {
  kelpwick: {
    level: 2.41,
    harmonics: {
      M2: { amplitude: 1.52, phase: 312.4 }, S2: { amplitude: 0.51, phase: 351.0 },
      N2: { amplitude: 0.31, phase: 291.7 }, K2: { amplitude: 0.14, phase: 349.2 },
      K1: { amplitude: 0.11, phase: 128.6 }, O1: { amplitude: 0.1, phase: 342.9 },
      M4: { amplitude: 0.09, phase: 41.3 }, MS4: { amplitude: 0.06, phase: 95.8 },
    },
  },
  "saint-orme": {
    level: 3.02,
    harmonics: {
      M2: { amplitude: 1.97, phase: 320.1 }, S2: { amplitude: 0.68, phase: 2.3 },
      N2: { amplitude: 0.39, phase: 300.5 }, K1: { amplitude: 0.12, phase: 131.0 },
      O1: { amplitude: 0.09, phase: 338.2 }, M4: { amplitude: 0.13, phase: 55.7 },
    },
  },
  "gull-holm": {
    level: 1.87,
    harmonics: {
      M2: { amplitude: 1.11, phase: 298.0 }, S2: { amplitude: 0.37, phase: 335.6 },
      N2: { amplitude: 0.22, phase: 277.1 }, K1: { amplitude: 0.09, phase: 121.8 },
      MU2: { amplitude: 0.04, phase: 12.0 }, M6: { amplitude: 0.02, phase: 201.4 },
    },
  },
  tarnsey: {
    level: 2.2,
    harmonics: {
      M2: { amplitude: 1.34, phase: 305.9 }, S2: { amplitude: 0.44, phase: 343.3 },
      L2: { amplitude: 0.05, phase: 318.0 }, T2: { amplitude: 0.03, phase: 340.0 },
      P1: { amplitude: 0.03, phase: 119.9 }, SSA: { amplitude: 0.04, phase: 210.0 },
    },
  },
};
export const stationNames = Object.keys(STATIONS);
export function loadStation(name) {
  const station = STATIONS[name];
  if (!station) throw new RangeError(`no station ${name}`);
  return { name, ...station };
}
