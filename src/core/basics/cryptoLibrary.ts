/** What a browser without Web Cryptography computes with. */
export { gcm } from '@noble/ciphers/aes.js';
export { pbkdf2Async } from '@noble/hashes/pbkdf2.js';
export { sha256 } from '@noble/hashes/sha2.js';
