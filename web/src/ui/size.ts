/** Reads the size of a picture, 1920×1080, with any of the signs that people have for ×. */
export function readSize(text: string): { width: number; height: number } | { why: string } {
  const m = /^(\d{2,5})\s*[x×*]\s*(\d{2,5})$/i.exec(text.trim())
  return m ? { width: Number(m[1]), height: Number(m[2]) } : { why: 'Not a picture size: use 1920×1080' }
}
