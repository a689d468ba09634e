/** The bytes of a file in base64. @throws Error where it cannot be read */
export async function base64Of(blob: Blob): Promise<string> {
  const text = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.addEventListener('load', () => resolve(String(reader.result)));
    reader.addEventListener('error', () => reject(reader.error ?? new Error('the file cannot be read')));
    reader.readAsDataURL(blob);
  });
  return text.slice(text.indexOf(',') + 1);
}
