declare module 'jstat' {
  interface Distribution {
    readonly inv: (p: number, ...parameters: number[]) => number;
    readonly cdf: (x: number, ...parameters: number[]) => number;
  }
  const all: {
    readonly jStat: {
      readonly normal: Distribution;
      readonly studentt: Distribution;
      readonly chisquare: Distribution;
      readonly gammaln: (x: number) => number;
    };
  };
  export = all;
}
