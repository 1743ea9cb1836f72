/** How many there are: "1 answer", "3 answers". */
export const say = (count: number, one: string, many = `${one}s`) => `${count} ${count === 1 ? one : many}`;
