/** The most a picture may have, bytes; the server refuses more as well. */
const mostPictureBytes = 16_000_000

/** Sends a picture; its id comes back when it lies on the disk. */
export async function keepPicture(path: string, picture: File, signal?: AbortSignal): Promise<string> {
  if (picture.size > mostPictureBytes) throw new Error('A photo has at most 16 MB. Nothing was kept.')
  return (await askServer<{ id: string }>(path, { method: 'POST', file: picture, signal })).id
}

/** A picture as an address that holds all of it, for drawings that are kept as files. */
export async function embeddedPicture(id: string): Promise<string> {
  const answer = await fetch(`/api/pictures/${id}`)
  if (!answer.ok) throw new Error('This picture is not on this machine.')
  const reader = new FileReader()
  const read = new Promise<string>((resolve, reject) => {
    reader.addEventListener('load', () => resolve(String(reader.result)))
    reader.addEventListener('error', () => reject(new Error('This picture cannot be read.')))
  })
  reader.readAsDataURL(await answer.blob())
  return read
}
