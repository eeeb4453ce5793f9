declare module 'quadprog' {
  const quadprog: {
    solveQP(
      D: number[][],
      d: number[],
      A: number[][],
      b: number[],
      equalities: number,
    ): { solution: number[]; message: string };
  };
  export default quadprog;
}
