// Reads a message from the input with a library that knows nothing of the one that wrote it, for the tests.
import { Buffer } from "node:buffer";
import { readFileSync } from "node:fs";
import PostalMime from "postal-mime";

const mail = await PostalMime.parse(readFileSync(0));
const header = (name) => mail.headers.find((one) => one.key === name)?.value ?? null;
process.stdout.write(
  JSON.stringify({
    subject: mail.subject,
    from: mail.from,
    to: mail.to ?? [],
    cc: mail.cc ?? [],
    bcc: mail.bcc ?? [],
    automatic: header("auto-submitted"),
    text: mail.text ?? "",
    html: mail.html ?? "",
    files: mail.attachments.map((one) => ({
      name: one.filename,
      type: one.mimeType,
      isInline: one.disposition === "inline",
      contentId: one.contentId ?? null,
      base64: Buffer.from(one.content).toString("base64"),
    })),
  }),
);
