/** The part of jStat that is used. */
declare module 'jstat' {
  const module: {
    jStat: {
      chisquare: { inv(share: number, degrees: number): number }
      beta: { inv(share: number, alpha: number, beta: number): number }
    }
  }
  export default module
}
