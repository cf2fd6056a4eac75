declare module 'plotly.js-basic-dist-min' {
  const plotly: {
    react(at: HTMLElement, data: never, layout: never, config: object): Promise<void>;
    purge(at: HTMLElement): void;
  };
  export default plotly;
}
