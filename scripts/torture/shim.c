/* Stands between a program and the system for `npm run torture`: counts what is done to the files of one folder, and at
 * the given number kills the program at once, before it, after it, or half-way through a write; or has the disk full
 * after so many bytes.
 *
 *   TORTURE_FOLDER  files below it count
 *   TORTURE_AT      the number of the call at which it ends; 0: never
 *   TORTURE_HOW     before, after, half
 *   TORTURE_ROOM    bytes that may be written; -1: any
 *   TORTURE_LOG     a file that gets the number of calls so far, in place
 */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <fcntl.h>
#include <limits.h>
#include <pthread.h>
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/types.h>
#include <unistd.h>

static const char *folder, *how;
static long at, room = -1, calls;
static int counting = -1;
static pthread_mutex_t lock = PTHREAD_MUTEX_INITIALIZER;

static ssize_t (*real_pwrite64)(int, const void *, size_t, off64_t);
static ssize_t (*real_pwrite)(int, const void *, size_t, off_t);
static ssize_t (*real_write)(int, const void *, size_t);
static int (*real_fsync)(int), (*real_fdatasync)(int), (*real_ftruncate64)(int, off64_t), (*real_ftruncate)(int, off_t);
static int (*real_rename)(const char *, const char *), (*real_unlink)(const char *);

__attribute__((constructor)) static void begin(void) {
  folder = getenv("TORTURE_FOLDER");
  how = getenv("TORTURE_HOW") ? getenv("TORTURE_HOW") : "before";
  at = getenv("TORTURE_AT") ? atol(getenv("TORTURE_AT")) : 0;
  room = getenv("TORTURE_ROOM") ? atol(getenv("TORTURE_ROOM")) : -1;
  real_pwrite64 = dlsym(RTLD_NEXT, "pwrite64");
  real_pwrite = dlsym(RTLD_NEXT, "pwrite");
  real_write = dlsym(RTLD_NEXT, "write");
  real_fsync = dlsym(RTLD_NEXT, "fsync");
  real_fdatasync = dlsym(RTLD_NEXT, "fdatasync");
  real_ftruncate64 = dlsym(RTLD_NEXT, "ftruncate64");
  real_ftruncate = dlsym(RTLD_NEXT, "ftruncate");
  real_rename = dlsym(RTLD_NEXT, "rename");
  real_unlink = dlsym(RTLD_NEXT, "unlink");
  if (getenv("TORTURE_LOG")) counting = open(getenv("TORTURE_LOG"), O_CREAT | O_WRONLY | O_TRUNC, 0644);
}

static int ours_path(const char *path) {
  return folder && path && strncmp(path, folder, strlen(folder)) == 0;
}
static int ours(int fd) {
  char link[64], path[PATH_MAX];
  ssize_t n;
  if (!folder) return 0;
  snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
  n = readlink(link, path, sizeof path - 1);
  if (n <= 0) return 0;
  path[n] = 0;
  return ours_path(path);
}
/* 1: this is the call at which it ends. */
static int count(void) {
  char text[32];
  int now;
  pthread_mutex_lock(&lock);
  now = ++calls == at;
  if (counting >= 0 && real_pwrite64)
    (void)!real_pwrite64(counting, text, (size_t)snprintf(text, sizeof text, "%ld\n", calls), 0);
  pthread_mutex_unlock(&lock);
  return now;
}
static void die(void) {
  kill(getpid(), SIGKILL);
  for (;;) pause();
}
static int is(const char *word) { return strcmp(how, word) == 0; }

#define WRITING(call, partial)                       \
  int end;                                           \
  ssize_t done;                                      \
  if (!ours(fd)) return call;                        \
  end = count();                                     \
  if (end && is("before")) die();                    \
  if (end && is("half")) { (void)!(partial); die(); } \
  if (room >= 0) {                                   \
    if ((long)n > room) { errno = ENOSPC; return -1; } \
    room -= (long)n;                                 \
  }                                                  \
  done = call;                                       \
  if (end) die();                                    \
  return done;

ssize_t pwrite64(int fd, const void *data, size_t n, off64_t where) {
  WRITING(real_pwrite64(fd, data, n, where), real_pwrite64(fd, data, n / 2, where))
}
ssize_t pwrite(int fd, const void *data, size_t n, off_t where) {
  WRITING(real_pwrite(fd, data, n, where), real_pwrite(fd, data, n / 2, where))
}
ssize_t write(int fd, const void *data, size_t n) {
  WRITING(real_write(fd, data, n), real_write(fd, data, n / 2))
}

#define DOING(mine, call)            \
  int end, done;                     \
  if (!(mine)) return call;          \
  end = count();                     \
  if (end && !is("after")) die();    \
  done = call;                       \
  if (end) die();                    \
  return done;

int fsync(int fd) { DOING(ours(fd), real_fsync(fd)) }
int fdatasync(int fd) { DOING(ours(fd), real_fdatasync(fd)) }
int ftruncate64(int fd, off64_t n) { DOING(ours(fd), real_ftruncate64(fd, n)) }
int ftruncate(int fd, off_t n) { DOING(ours(fd), real_ftruncate(fd, n)) }
int rename(const char *from, const char *to) { DOING(ours_path(from) || ours_path(to), real_rename(from, to)) }
int unlink(const char *path) { DOING(ours_path(path), real_unlink(path)) }
