// Finding things by role and name asks for the computed style of every element and of its ancestors, each time by
// all rules of the page: more than half of the time of these tests. Here an element's own style answers; what style
// sheets hide is looked at end to end, in a browser.
// What is waited for may have to be compiled first, on a machine that does other things.
require('@testing-library/react').configure({ defaultHidden: true, asyncUtilTimeout: 30_000 });
window.getComputedStyle = (element) => element.style;
// Paper draws icons from a font of its own unless the theme's provider says otherwise; these tests look at no icon.
require('@jest/globals').jest.mock('@expo/vector-icons/MaterialCommunityIcons', () => ({ default: () => null }));
// The page that stands in for a browser has no CSS.escape; ids in tests need none.
globalThis.CSS ??= { escape: (text) => text };
