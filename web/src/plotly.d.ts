/** The bundle that draws lines, points and contours has no types of its own: its calls are those of the whole. */
declare module 'plotly.js-cartesian-dist-min' {
  export * from 'plotly.js';
  import Plotly from 'plotly.js';
  export default Plotly;
}
