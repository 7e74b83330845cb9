/** The name, cut in two by the blade. */
export const Wordmark = () => (
  <span className="flex items-center gap-1.5 text-[14px] font-bold" style={{ fontStretch: '125%' }}>
    Geo
    <span className="inline-block h-[2.5px] w-3.5 bg-cut" aria-hidden />
    <span>tome</span>
  </span>
)
