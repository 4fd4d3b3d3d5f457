import { IconCamera } from '@tabler/icons-react';
import { useState } from 'react';
import { missingPhotos, PHOTO_SUBJECTS, type PhotoSubject, type VisitState } from '@decurio/core';
import { putPhoto, takePhoto } from '../../outbox/outbox-shelf.js';
import { Notice } from '../../ui/notice.js';
import type { Visit } from '../use-visit.js';
import { sha256Of, shrinkPhoto } from './shrink-photo.js';
import classes from './photos.module.css';

export interface PhotosProps {
  readonly unitId: string;
  readonly state: VisitState;
  readonly visit: Visit;
  readonly step: 'checkIn' | 'readBack';
  /** What may be photographed here; what house rules ask for stands first and says so. */
  readonly subjects: readonly PhotoSubject[];
}

/** Photographs of this step, by camera or from a file; made small here and kept until the server has them. */
export function Photos({ unitId, state, visit, step, subjects }: PhotosProps) {
  const [problem, setProblem] = useState<string | null>(null);
  const missing = missingPhotos(state, step);
  const asked = state.opened.bench?.photos[step] ?? [];
  const all = [...asked, ...subjects.filter((subject) => !asked.includes(subject))];
  const add = async (subject: PhotoSubject, file: File | undefined) => {
    if (!file) return;
    const jpeg = await shrinkPhoto(file);
    if (!jpeg) return setProblem(`${file.name} is no picture that this device can read. Take it as JPEG or PNG.`);
    setProblem(null);
    const photoId = crypto.randomUUID();
    await putPhoto(photoId, unitId, state.visitId, jpeg);
    await visit.act('photographed', { photoId, subject, sha256: await sha256Of(jpeg), words: '' });
  };
  const here = state.photos.filter(({ during }) => during === step);
  return (
    <div className={classes['photos']}>
      <div className={classes['takes']} role="group" aria-label="Photographs">
        {all.map((subject) => (
          <label key={subject} data-asked={missing.includes(subject)}>
            <IconCamera size={20} aria-hidden="true" />
            Photo of {PHOTO_SUBJECTS[subject].toLowerCase()}
            {missing.includes(subject) && <small>asked for</small>}
            <input
              type="file"
              accept="image/*"
              capture="environment"
              className="hidden-words"
              aria-label={`Photograph: ${PHOTO_SUBJECTS[subject]}`}
              onChange={(event) => void add(subject, event.target.files?.[0])}
            />
          </label>
        ))}
        {here.map(({ photoId, subject }) => (
          <Thumbnail key={photoId} photoId={photoId} says={PHOTO_SUBJECTS[subject]} />
        ))}
      </div>
      {problem !== null && <Notice kind="care" says={problem} />}
    </div>
  );
}

/** The picture as the server has it, or as it waits here. */
function Thumbnail({ photoId, says }: { readonly photoId: string; readonly says: string }) {
  const [local, setLocal] = useState<string | null>(null);
  return (
    <img
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
