# frozen_string_literal: true

module Server
  # Takes in everything beneath a folder; a broken file does not stop the rest.
  class IntakeJob < Que::Job
    self.maximum_retry_count = 2

    STOPPED = "looking at it stopped a worker #{CountedJob::MOST} times; copy it again, or take it out of the folder".freeze

    # Goes on where a killed worker left off; what killed it again and again is passed over.
    def run(intake_id)
      intake = Intake.fetch(intake_id)
      paths = Intake::Survey.new(intake.media_root, intake.path).paths
      @taking = Intake::Taking.new(intake.project, intake.media_root)
      begin_with(intake, paths) unless intake.at && paths.include?(intake.at)
      paths.drop(paths.index(intake.at).to_i).each { |path| take(intake, path) }
      Slates.look(intake.project)
      intake.update!(status: "done", at: nil, message: paths.empty? ? "there is no media beneath this folder" : nil)
    rescue Mordant::Error => e
      intake&.update!(status: "failed", message: e.message)
    end

    private

    def begin_with(intake, paths)
      intake.update!(status: "running", found: paths.size, done: 0, refused: 0, at: nil, tries: 0)
      @taking.forget(intake.path, paths)
    end

    def take(intake, path)
      again = intake.at == path
      intake.update!(at: path, tries: again ? intake.tries + 1 : 1)
      clip = (intake.tries > CountedJob::MOST) ? @taking.refuse(path, STOPPED) : @taking.call(path)
      intake.update!(done: intake.done + 1, refused: intake.refused + (clip.ready? ? 0 : 1))
    end
  end
end
