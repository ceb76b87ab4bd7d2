/** Stands in for style sheets, fonts and pictures, which no test looks at. */
export default '';
