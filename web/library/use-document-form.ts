import { useForm, type UseFormReturnType } from '@mantine/form';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { documentSchemas, type LibraryDocuments, type LibraryKind } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useDraft, type Draft } from '../drafts/use-draft.js';
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
  readonly draft: Pick<Draft<object>, 'begunAt' | 'startAfresh'>;
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
  const draft = useDraft(`edit.${kind}.${start.id}`, clean);
  const [initialValues] = useState(draft.value);
  const round = useRef(0);
  const form = useForm<LibraryDocuments[K]>({
    initialValues,
    validate: (values) => slipsIn(documentSchemas[kind], asKept(values)),
    validateInputOnChange: tried,
    validateInputOnBlur: true,
    // The first says what the form begins with.
    onValuesChange: (values) => round.current++ > 0 && draft.change(values),
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
      startAfresh: () => {
        round.current = 0;
        form.setValues(structuredClone(start));
        draft.startAfresh();
      },
    },
  };
}
