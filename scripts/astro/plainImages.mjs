/** Pictures of the guide go out as the files they are: nothing is scaled while pages are served. */
export default {
  getURL: ({ src }) => (typeof src === 'string' ? src : src.src),
  getHTMLAttributes: ({ src, alt }) => ({
    alt,
    width: src.width,
    height: src.height,
    loading: 'lazy',
    decoding: 'async',
  }),
};
