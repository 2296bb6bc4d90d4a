/** The most a picture may have, bytes; the server refuses more as well. */
const mostPictureBytes = 16_000_000

/** Sends a picture; its id comes back when it lies on the disk. */
export async function keepPicture(path: string, picture: File): Promise<string> {
  if (picture.size > mostPictureBytes) throw new Error('A photo has at most 16 MB. Nothing was kept.')
  return (await askServer<{ id: string }>(path, { method: 'POST', file: picture })).id
}
