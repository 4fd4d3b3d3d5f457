import { IconCamera } from '@tabler/icons-react';
import { useState } from 'react';
import { takePhoto } from '../../outbox/outbox-shelf.js';
import classes from './take-photo.module.css';

/** Takes a photograph by camera or from a file. */
export function TakePhoto({
  says,
  isAsked = false,
  isShort = false,
  onFile,
}: {
  /** What is photographed. */
  readonly says: string;
  readonly isAsked?: boolean;
  /** The camera alone, where what is meant stands beside it. */
  readonly isShort?: boolean;
  readonly onFile: (file: File) => void;
}) {
  return (
    <label className={classes['take']} data-asked={isAsked}>
      <IconCamera size={20} aria-hidden="true" />
      {isShort ? 'Photo' : `Photo of ${says.toLowerCase()}`}
      {isAsked && <small>asked for</small>}
      <input
        type="file"
        accept="image/*"
        capture="environment"
        className="hidden-words"
        aria-label={`Photograph: ${says}`}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
        }}
      />
    </label>
  );
}

/** The picture as the server has it, or as it waits here. */
export function Thumbnail({ photoId, says }: { readonly photoId: string; readonly says: string }) {
  const [local, setLocal] = useState<string | null>(null);
  return (
    <img
      className={classes['thumbnail']}
      src={local ?? `/api/photos/${photoId}`}
      alt={`Photograph: ${says}`}
      width={64}
      height={48}
      onError={() => {
        if (local === null) void takePhoto(photoId).then((jpeg) => jpeg && setLocal(URL.createObjectURL(jpeg)));
      }}
    />
  );
}
