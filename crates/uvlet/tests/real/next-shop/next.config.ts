import type { NextConfig } from "next";

const nextConfig: NextConfig = { output: "export", productionBrowserSourceMaps: !process.env.NO_MAPS };

export default nextConfig;
