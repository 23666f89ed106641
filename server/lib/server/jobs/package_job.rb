# frozen_string_literal: true

module Server
  # Makes a package of looks, table by table.
  class PackageJob < CountedJob
    self.maximum_retry_count = 2

    # Nobody wants it any more.
    class Cancelled < StandardError; end

    def work(package_id)
      @package = Package.find_by(id: package_id)
      return unless @package&.live?

      @package.update!(status: "running", done: 0)
      write
      Package.where(id: package_id, status: "running").update_all(status: "done", done: @package.count)
    rescue Cancelled
      FileUtils.rm_f(@package.file)
    rescue Mordant::Error, SystemCallError => e
      @package.update!(status: "failed", message: Complaint.of(e))
    end

    def set_aside(package_id) = Package.where(id: package_id).update_all(status: "failed", message: REASON)

    private

    def write
      FileUtils.mkdir_p(Package.folder)
      partial = "#{@package.file}.part"
      File.open(partial, "wb") { |file| Tar.write(file) { |tar| fill(tar) } }
      File.rename(partial, @package.file)
    ensure
      FileUtils.rm_f(partial) if partial
    end

    def fill(tar)
      looks = @package.looks
      looks.each_file do |path, bytes, shots|
        raise Cancelled unless @package.live?

        tar.add("#{looks.name}/#{path}", bytes)
        @package.update_columns(done: shots)
      end
    end
  end
end
