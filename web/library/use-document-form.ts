import { useForm, type UseFormReturnType } from '@mantine/form';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { hashOf } from '@decurio/core';
import { documentSchemas, type LibraryDocuments, type LibraryKind } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import type { BegunDraft } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import { slipsIn } from '../ui/slips.js';

type FormKind = Exclude<LibraryKind, 'displayMap'>;

export interface DocumentForm<K extends FormKind> {
  readonly form: UseFormReturnType<LibraryDocuments[K]>;
  readonly submit: () => void;
  readonly isBusy: boolean;
  /** What the server, or the form as a whole, has against it. */
  readonly problem: string | null;
  readonly slips: number;
  /** What was typed before, where it was not kept as a version. */
  readonly draft: BegunDraft;
}

/** A document being edited: validated as the server will, kept as its next version. `asKept` says what is sent. */
export function useDocumentForm<K extends FormKind>(
  kind: K,
  start: LibraryDocuments[K],
  asKept: (document: LibraryDocuments[K]) => LibraryDocuments[K] = (document) => document,
): DocumentForm<K> {
  const navigate = useNavigate();
  const [add, adding] = api.useAddDocumentMutation();
  const [tried, setTried] = useState(false);
  // What comes from the store is frozen; a form writes into its copy.
  const [clean] = useState(() => structuredClone(start));
  const [base] = useState(() => hashOf(clean));
  const draft = useDraft(`edit.${kind}.${start.id}`, { document: clean, base });
  const [initialValues] = useState(draft.value.document);
  const isClearing = useRef(false);
  const form = useForm<LibraryDocuments[K]>({
    initialValues,
    validate: (values) => slipsIn(documentSchemas[kind], asKept(values)),
    validateInputOnChange: tried,
    validateInputOnBlur: true,
    onValuesChange: (values) => {
      if (!isClearing.current) draft.change({ document: values });
    },
  });
  const problem = asProblem(adding.error);
  const submit = () => {
    setTried(true);
    if (form.validate().hasErrors) return;
    void add({ kind, document: asKept(form.getValues()) }).then((answer) => {
      if (!answer.data) return;
      draft.forget();
      void navigate(`/library/${kind}/${answer.data.id}`);
    });
  };
  return {
    form,
    submit,
    isBusy: adding.isLoading,
    problem: problem ? [problem.message, ...Object.values(problem.fields ?? {})].join(' ') : null,
    slips: Object.keys(form.errors).length,
    draft: {
      begunAt: draft.begunAt,
      isOverNewer: draft.value.base !== base,
      startAfresh: () => {
        isClearing.current = true;
        form.setValues(structuredClone(start));
        isClearing.current = false;
        draft.startAfresh();
      },
    },
  };
}
