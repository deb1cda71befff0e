import { ToRegister } from '@/core/exchange/register';
import { deskBytes, smallBytes, type Endpoint, type Surroundings } from './endpoint';
import { RegisterAway, sendToRegister } from './registerClient';
import { bodyOf, fitting, Refused } from './respond';

/** What the desk asks of the register behind the server. Its address and secret are the server's alone. */
export function registerEndpoints({ settings, log }: Surroundings): Endpoint[] {
  const { register } = settings;
  return [
    {
      method: 'GET',
      path: '/desk/register',
      role: 'desk',
      most: smallBytes,
      answer: async ({ http }) => http.json({ at: register ? new URL(register.url).host : null }),
    },
    {
      method: 'POST',
      path: '/desk/register',
      role: 'desk',
      most: deskBytes,
      answer: async ({ http }) => {
        const asked = fitting(ToRegister, await bodyOf(http));
        if (!register) throw new Refused('notFound', 'register');
        try {
          return http.json(await sendToRegister(register, asked));
        } catch (error) {
          if (!(error instanceof RegisterAway)) throw error;
          log(`register: ${error.name}`);
          // Why is the teacher's to read; nothing of it is a secret.
          return http.json({ outcomes: [], fault: error.message });
        }
      },
    },
  ];
}
