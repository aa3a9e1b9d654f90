// A label can be read at this many pixels, and a phone's line carries it in seconds.
const longestSide = 1600
const quality = 0.8

/** The picture as a JPEG no longer than 1600 pixels on a side. */
export async function smaller(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file)
  const scale = Math.min(1, longestSide / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(picture.width * scale)
  canvas.height = Math.round(picture.height * scale)
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
  return new Promise((resolve, reject) =>
    canvas.toBlob(blob => (blob ? resolve(blob) : reject(new Error('The picture could not be read.'))), 'image/jpeg', quality),
  )
}
