/** Sign-in and sessions by a well-kept library over our own tables; nobody signs up by themselves. */
import { betterAuth } from 'better-auth';
import type { Config } from '../config';
import type { Db } from '../db/client';
import { ADDRESS_HEADER } from './attempts';
import { hashPassword, verifyPassword } from './password';

const times = { createdAt: 'created_at', updatedAt: 'updated_at' } as const;

export function makeAuth(db: Db, config: Config) {
  return betterAuth({
    database: db,
    secret: config.secret,
    baseURL: config.publicUrl,
    basePath: '/api/auth',
    trustedOrigins: [new URL(config.publicUrl).origin],
    telemetry: { enabled: false },
    emailAndPassword: { enabled: true, disableSignUp: true, password: { hash: hashPassword, verify: verifyPassword } },
    user: {
      modelName: 'person',
      fields: { ...times, emailVerified: 'email_verified' },
      additionalFields: {
        role: { type: 'string', required: true, input: false },
        initials: { type: 'string', required: true, input: false },
        retired: { type: 'boolean', required: false, input: false },
      },
      changeEmail: { enabled: false },
      deleteUser: { enabled: false },
    },
    session: {
      modelName: 'session',
      fields: {
        ...times,
        userId: 'person_id',
        expiresAt: 'expires_at',
        ipAddress: 'ip_address',
        userAgent: 'user_agent',
      },
      expiresIn: 60 * 60 * 24 * 14,
    },
    account: {
      modelName: 'credential',
      fields: {
        ...times,
        userId: 'person_id',
        accountId: 'account_id',
        providerId: 'provider_id',
        accessToken: 'access_token',
        refreshToken: 'refresh_token',
        idToken: 'id_token',
        accessTokenExpiresAt: 'access_token_expires_at',
        refreshTokenExpiresAt: 'refresh_token_expires_at',
      },
    },
    verification: { modelName: 'verification', fields: { ...times, expiresAt: 'expires_at' } },
    // Attempts are counted in attempts.ts, by account and address, and outlive a restart.
    rateLimit: { enabled: false },
    // Written by our own door alone (attempts.ts): what a stranger claims of their address is not believed.
    advanced: {
      ipAddress: { ipAddressHeaders: [ADDRESS_HEADER] },
      cookiePrefix: 'nesting',
      useSecureCookies: config.publicUrl.startsWith('https:'),
    },
    logger: { disabled: true },
  });
}

export type Auth = ReturnType<typeof makeAuth>;
