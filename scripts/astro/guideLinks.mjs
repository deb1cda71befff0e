/** Links from file to file of the guide lead from page to page in the app: `04-run.md#exceptions` is `/guide/run#exceptions`. */
export const guideLinks = () => (tree) => follow(tree);

function follow(node) {
  if (node.type === 'link') node.url = node.url.replace(/^\d+-([a-z-]+)\.md/, '/guide/$1');
  for (const child of node.children ?? []) follow(child);
}
