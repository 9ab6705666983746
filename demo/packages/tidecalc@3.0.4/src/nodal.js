import { cosine, sine } from "./astronomy.js";
/** Nodal factor f and phase u of a constituent for the lunar node N. */
export function nodal(name, N) {
  const c = cosine(N);
  const s = sine(N);
  switch (name) {
    case "M2":
    case "N2":
    case "NU2":
    case "MU2":
      return { f: 1 - 0.037 * c, u: -2.1 * s };
    case "K2":
      return { f: 1.024 + 0.286 * c, u: -17.7 * s };
    case "K1":
      return { f: 1.006 + 0.115 * c, u: -8.9 * s };
    case "O1":
    case "Q1":
      return { f: 1.009 + 0.187 * c, u: 10.8 * s };
    case "M4":
    case "MN4":
      return { f: (1 - 0.037 * c) ** 2, u: -4.2 * s };
    case "M6":
      return { f: (1 - 0.037 * c) ** 3, u: -6.3 * s };
    case "MF":
      return { f: 1.043 + 0.414 * c, u: -23.7 * s };
    default:
      return { f: 1, u: 0 };
  }
}
