import { problemOf } from '../api/index.js';
import { Button, Small } from '../look/index.js';
import { useMailLinkMutation } from './identityApi.js';

/** A link by mail to an address, if it is anybody's; the page does not learn whether it is. */
export function MailLinkButton({ email }: { readonly email: string }) {
  const [mailLink, { isLoading, isSuccess, error, originalArgs }] = useMailLinkMutation();
  if (isSuccess && originalArgs?.email === email)
    return (
      <Small role="status">
        Check the inbox of {email}. If this email is known here, a sign-in link is there.
      </Small>
    );
  return (
    <>
      <Button
        kind="quiet"
        isDisabled={isLoading || email.trim() === ''}
        onPress={() => void mailLink({ email: email.trim() })}
      >
        {isLoading ? 'One moment…' : 'Email me a link'}
      </Button>
      {error && <Small role="alert">{problemOf(error).detail}</Small>}
    </>
  );
}
