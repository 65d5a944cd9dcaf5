/** The bundle with contours has the same calls as the basic one. */
declare module 'plotly.js-cartesian-dist-min' {
  import Plotly from 'plotly.js-basic-dist-min';
  export default Plotly;
}
