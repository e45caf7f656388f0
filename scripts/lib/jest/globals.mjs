export const { describe, test, it, expect, beforeAll, afterAll, beforeEach, afterEach, jest } = globalThis
