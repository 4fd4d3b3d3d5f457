import { useState } from 'react';
import { missingPhotos, PHOTO_SUBJECTS, type PhotoSubject, type VisitState } from '@decurio/core';
import { putPhoto } from '../../outbox/outbox-shelf.js';
import { Notice } from '../../ui/notice.js';
import type { Visit } from '../use-visit.js';
import { sha256Of, shrinkPhoto, unreadablePhoto } from './shrink-photo.js';
import { TakePhoto, Thumbnail } from './take-photo.js';
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
  const add = async (subject: PhotoSubject, file: File) => {
    const jpeg = await shrinkPhoto(file);
    if (!jpeg) return setProblem(unreadablePhoto(file));
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
          <TakePhoto
            key={subject}
            says={PHOTO_SUBJECTS[subject]}
            isAsked={missing.includes(subject)}
            onFile={(file) => void add(subject, file)}
          />
        ))}
        {here.map(({ photoId, subject }) => (
          <Thumbnail key={photoId} photoId={photoId} says={PHOTO_SUBJECTS[subject]} />
        ))}
      </div>
      {problem !== null && <Notice kind="care" says={problem} />}
    </div>
  );
}
