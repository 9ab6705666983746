import ropework from "ropework";
export const inHeaps = ropework.inHeaps;
export const afterQuiet = ropework.afterQuiet;
