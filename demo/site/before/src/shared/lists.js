import ropework from "ropework";
export const groupBy = ropework.groupBy;
export const debounce = ropework.debounce;
