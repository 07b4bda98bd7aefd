for s in 12 117; do timeout 100 npx tsx scripts/t3.ts easy $s $s 2>&1 | grep -v "npm warn"; done
