export const rows = [{ name: 'oak', price: 3 }, { name: 'ash', price: 2 }]
export const neverUsed = (text: string) => text.split('').reverse().join('-') + 'never used by anybody'
