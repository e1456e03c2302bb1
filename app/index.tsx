/** The views are shown by the layout, so that they stay while the address changes; see `_layout.tsx`. */
export default function Address() {
  return null;
}
