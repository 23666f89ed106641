# frozen_string_literal: true

module Server
  # Makes the working copy of a clip, behind all other work.
  class CopyJob < CountedJob
    self.maximum_retry_count = 1
    PRIORITY = 1000
    REPORT_EVERY = 0.5 # seconds

    # Has a copy made where it is wanted and not there.
    #
    # @param clip [Clip]
    def self.want(clip)
      copy = Pictures::Copies.current.of(clip, *Pictures::Desk.raster(clip.project))
      return clip.update!(copy_status: "ready", copy_done: clip.file_frames) if copy.exist?

      clip.update!(copy_status: "waiting", copy_done: 0)
      enqueue(clip.id, job_options: {priority: PRIORITY})
    end

    def work(clip_id)
      @clip = Clip.find_by(id: clip_id)
      return unless @clip&.ready? && %w[waiting making].include?(@clip.copy_status)

      @clip.update!(copy_status: "making", copy_done: 0)
      Pictures::Copies.current.make(@clip, *Pictures::Desk.raster(@clip.project)) { |done| report(done) }
      @clip.update!(copy_status: "ready", copy_done: @clip.file_frames)
    rescue Mordant::Error, SystemCallError => e
      warn("working copy of #{@clip&.path}: #{Complaint.of(e)}")
      Clip.where(id: clip_id).update_all(copy_status: "failed")
    end

    def set_aside(clip_id) = Clip.where(id: clip_id).update_all(copy_status: "failed")

    private

    def report(done)
      now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
      return if @reported && now - @reported < REPORT_EVERY

      @reported = now
      @clip.update_columns(copy_done: done)
    end
  end
end
