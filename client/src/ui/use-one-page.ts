import { useEffect, type RefObject } from 'react'

const px = (millimetres: number) => (millimetres / 25.4) * 96
/** What is left of A4 within the margins of styles.css. */
const [WIDE, HIGH] = [px(210 - 18), px(297 - 18)]
/** Down to what can still be read with the sheet in one hand. */
const SIZES = [1, 0.97, 0.94, 0.91, 0.88, 0.85, 0.82, 0.79]

/** What is printed is one page: where there is too much for it, all of it is drawn smaller. It is measured just before it is printed, as it will be. */
export function useOnePage(sheet: RefObject<HTMLElement | null>) {
  useEffect(() => {
    const fit = () => {
      const paper = sheet.current
      if (!paper) return
      const root = document.documentElement.style
      const { fontSize, lineHeight } = root
      Object.assign(root, { fontSize: '8pt', lineHeight: '1.3' })
      Object.assign(paper.style, { display: 'block', position: 'absolute', visibility: 'hidden' })
      const size =
        SIZES.find((zoom) => {
          Object.assign(paper.style, { zoom: String(zoom), width: `${WIDE / zoom}px` })
          return paper.getBoundingClientRect().height < HIGH
        }) ?? SIZES.at(-1)!
      Object.assign(paper.style, { display: '', position: '', visibility: '', width: '', zoom: String(size) })
      Object.assign(root, { fontSize, lineHeight })
    }
    window.addEventListener('beforeprint', fit)
    return () => window.removeEventListener('beforeprint', fit)
  }, [sheet])
}
