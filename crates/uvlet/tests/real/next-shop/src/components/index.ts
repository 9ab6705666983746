export { Basket } from "./Basket";
export { Prices } from "./Prices";
export { Slides } from "./Slides";
export { OrderForm } from "./OrderForm";
